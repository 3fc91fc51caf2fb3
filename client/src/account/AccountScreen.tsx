import { ChangePassword } from '@nibquill/contract'
import { useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import QRCode from 'react-qr-code'
import { BigButton } from '../kit/BigButton'
import { Field } from '../kit/Field'
import { Box, Hint } from '../kit/form'
import { FormLine } from '../kit/formLines'
import { Head } from '../kit/Head'
import { Bar, Page, Sides } from '../kit/layout'
import { isHere, NotYet } from '../kit/NotYet'
import { colours, fonts, space } from '../kit/theme'
import { toast } from '../kit/Toast'
import { useFormOf } from '../kit/useFormOf'
import {
  useBeginCodes,
  useChangePassword,
  useCodes,
  useCodesOff,
  useConfirmCodes,
  accountsWords,
} from '../accounts'
import { SignInProblem } from '../door'
import { t } from './words'

/** A member of staff's own way in: password and one-time codes. */
export function AccountScreen() {
  return (
    <Page sides>
      <Head title={accountsWords('account')} back="/class" />
      <Sides left={<PasswordBox />} right={<CodesBox />} />
    </Page>
  )
}

function PasswordBox() {
  const change = useChangePassword()
  const start = { password: '', newPassword: '' }
  const { control, reset, send } = useFormOf(ChangePassword, start, async (body) => {
    await change.mutateAsync(body)
    reset()
    toast(t('passwordChanged'))
  })
  return (
    <Box title={t('changePassword')}>
      <FormLine
        control={control}
        name="password"
        label={t('oldPassword')}
        secureTextEntry
        autoComplete="current-password"
      />
      <FormLine
        control={control}
        name="newPassword"
        label={t('nextPassword')}
        secureTextEntry
        autoComplete="new-password"
      />
      {change.isError ? <SignInProblem error={change.error} /> : null}
      <Bar wrap>
        <BigButton
          small
          symbol="check"
          label={t('changePassword')}
          busy={change.isPending}
          onPress={send}
        />
      </Bar>
    </Box>
  )
}

function CodesBox() {
  const codes = useCodes()
  const begin = useBeginCodes()
  const off = useCodesOff()
  const confirm = useConfirmCodes()
  const [password, setPassword] = useState('')
  const [code, setCode] = useState('')
  if (!isHere(codes)) return <NotYet of={codes} />
  if (confirm.data) return <SpareCodes codes={confirm.data.codes} onDone={confirm.reset} />
  const { on, spareCodesLeft } = codes.data
  if (begin.data && !on) {
    return (
      <Box title={t('codes')}>
        <Hint>{t('codesScan')}</Hint>
        <View
          role="img"
          aria-label={t('codesQr')}
          style={{ alignSelf: 'flex-start', padding: space.apart, backgroundColor: '#fff' }}
        >
          <QRCode value={begin.data.address} size={190} fgColor={colours.ink} />
        </View>
        <View role="group" aria-label={t('codesSecret')}>
          <Text selectable style={{ fontFamily: fonts.strong, fontSize: 18, lineHeight: 28 }}>
            {begin.data.secret.match(/.{1,4}/g)?.join(' ')}
          </Text>
        </View>
        <Field
          label={t('codesCode')}
          value={code}
          onChangeText={setCode}
          inputMode="numeric"
          autoComplete="one-time-code"
          onSubmitEditing={() => confirm.mutate(code)}
        />
        {confirm.isError ? <SignInProblem error={confirm.error} /> : null}
        <Bar wrap>
          <BigButton
            small
            symbol="check"
            label={t('codesConfirm')}
            busy={confirm.isPending}
            disabled={code.trim() === ''}
            onPress={() => confirm.mutate(code)}
          />
        </Bar>
      </Box>
    )
  }
  const change = on ? off : begin
  const go = () =>
    change.mutate(password, {
      onSuccess: () => on && begin.reset(),
      onSettled: () => setPassword(''),
    })
  return (
    <Box title={t('codes')}>
      <Hint>{on ? t('codesOn', { left: spareCodesLeft }) : t('codesHelp')}</Hint>
      <Field
        label={t('codesPassword')}
        value={password}
        onChangeText={setPassword}
        secureTextEntry
        autoComplete="current-password"
        onSubmitEditing={go}
      />
      {change.isError ? <SignInProblem error={change.error} /> : null}
      <Bar wrap>
        <BigButton
          small
          tone={on ? 'again' : 'primary'}
          label={on ? t('codesOff') : t('codesBegin')}
          busy={change.isPending}
          disabled={password === ''}
          onPress={go}
        />
      </Bar>
    </Box>
  )
}

function SpareCodes({ codes, onDone }: { codes: string[]; onDone: () => void }) {
  return (
    <Box title={t('spareTitle')}>
      <Hint>{t('spareHelp')}</Hint>
      <Bar role="list" wrap align="stretch" gap="clear">
        {codes.map((code) => (
          <Text
            key={code}
            role="listitem"
            selectable
            style={{ fontFamily: fonts.strong, fontSize: 18, lineHeight: 28 }}
          >
            {code}
          </Text>
        ))}
      </Bar>
      <Bar wrap>
        <BigButton small symbol="check" label={t('spareDone')} onPress={onDone} />
      </Bar>
    </Box>
  )
}
