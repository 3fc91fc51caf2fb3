import { ChangePassword } from '@nibquill/contract'
import { valibotResolver } from '@hookform/resolvers/valibot'
import { useState } from 'react'
import { useForm } from 'react-hook-form'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import QRCode from 'react-qr-code'
import { BigButton } from '../kit/BigButton'
import { Field } from '../kit/Field'
import { Box, FormLine, Hint, Row } from '../kit/form'
import { Head } from '../kit/Head'
import { Page } from '../kit/layout'
import { isHere, NotYet } from '../kit/NotYet'
import { colours, fonts } from '../kit/theme'
import { toast } from '../kit/Toast'
import {
  accountsStrings as strings,
  useBeginCodes,
  useChangePassword,
  useCodes,
  useCodesOff,
  useConfirmCodes,
} from '../accounts'
import { SignInProblem } from '../door'

/** A member of staff's own way in: password and one-time codes. */
export function AccountScreen() {
  return (
    <Page max={640}>
      <Head title={strings.account} back="/class" />
      <PasswordBox />
      <CodesBox />
    </Page>
  )
}

function PasswordBox() {
  const change = useChangePassword()
  const { control, handleSubmit, reset } = useForm({
    resolver: valibotResolver(ChangePassword),
    defaultValues: { password: '', newPassword: '' },
  })
  const save = handleSubmit((body) =>
    change.mutate(body, {
      onSuccess: () => {
        reset()
        toast(strings.passwordChanged)
      },
    }),
  )
  return (
    <Box title={strings.changePassword}>
      <FormLine
        control={control}
        name="password"
        label={strings.oldPassword}
        secureTextEntry
        autoComplete="current-password"
      />
      <FormLine
        control={control}
        name="newPassword"
        label={strings.nextPassword}
        secureTextEntry
        autoComplete="new-password"
      />
      {change.isError ? <SignInProblem error={change.error} /> : null}
      <Row>
        <BigButton
          small
          symbol="check"
          label={strings.changePassword}
          busy={change.isPending}
          onPress={() => void save()}
        />
      </Row>
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
      <Box title={strings.codes}>
        <Hint>{strings.codesScan}</Hint>
        <View
          role="img"
          aria-label={strings.codesQr}
          style={{ alignSelf: 'flex-start', padding: 12, backgroundColor: '#fff' }}
        >
          <QRCode value={begin.data.address} size={190} fgColor={colours.ink} />
        </View>
        <View role="group" aria-label={strings.codesSecret}>
          <Text selectable style={{ fontFamily: fonts.strong, fontSize: 18, lineHeight: 28 }}>
            {begin.data.secret.match(/.{1,4}/g)?.join(' ')}
          </Text>
        </View>
        <Field
          label={strings.codesCode}
          value={code}
          onChangeText={setCode}
          inputMode="numeric"
          autoComplete="one-time-code"
          onSubmitEditing={() => confirm.mutate(code)}
        />
        {confirm.isError ? <SignInProblem error={confirm.error} /> : null}
        <Row>
          <BigButton
            small
            symbol="check"
            label={strings.codesConfirm}
            busy={confirm.isPending}
            disabled={code.trim() === ''}
            onPress={() => confirm.mutate(code)}
          />
        </Row>
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
    <Box title={strings.codes}>
      <Hint>{on ? strings.codesOn(spareCodesLeft) : strings.codesHelp}</Hint>
      <Field
        label={strings.codesPassword}
        value={password}
        onChangeText={setPassword}
        secureTextEntry
        autoComplete="current-password"
        onSubmitEditing={go}
      />
      {change.isError ? <SignInProblem error={change.error} /> : null}
      <Row>
        <BigButton
          small
          tone={on ? 'again' : 'primary'}
          label={on ? strings.codesOff : strings.codesBegin}
          busy={change.isPending}
          disabled={password === ''}
          onPress={go}
        />
      </Row>
    </Box>
  )
}

function SpareCodes({ codes, onDone }: { codes: string[]; onDone: () => void }) {
  return (
    <Box title={strings.spareTitle}>
      <Hint>{strings.spareHelp}</Hint>
      <View role="list" style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 16 }}>
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
      </View>
      <Row>
        <BigButton small symbol="check" label={strings.spareDone} onPress={onDone} />
      </Row>
    </Box>
  )
}
